/** The lines of an answer that are not empty: what was ticked, which files were sent. */
export const lines = (text: string) => text.split("\n").filter(Boolean);
