/** The rendition of a picture that everything is read from, on the page, the server and the command line, so that one picture has one reading: longest side in pixels, and quality of its JPEG. */
export const WORK_RENDITION = { longSide: 1600, quality: 86 } as const;
