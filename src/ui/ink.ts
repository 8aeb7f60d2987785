'use client'

/** A colour of the theme as it is now. */
export const ink = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim()
