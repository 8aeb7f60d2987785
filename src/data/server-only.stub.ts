// Tests run outside the server's module graph; there the guard is this empty module.
export {}
