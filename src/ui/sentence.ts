/** What a model says, as a sentence. */
export const sentence = (say: string): string => `${say[0]!.toUpperCase()}${say.slice(1)}.`
