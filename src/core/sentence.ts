/** What is said in a few words, as a sentence. */
export const sentence = (say: string): string => `${say.charAt(0).toUpperCase()}${say.slice(1)}.`

/** A sentence that goes on after another. */
export const lowerFirst = (say: string): string => say.charAt(0).toLowerCase() + say.slice(1)

/** The same with a capital, where more follows it. */
export const upperFirst = (say: string): string => say.charAt(0).toUpperCase() + say.slice(1)
