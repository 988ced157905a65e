/** Name of a file to be saved, in letters every header and disk takes. */
function downloadName(stem: string, extension: string): string {
  const plain = stem
    .normalize('NFKD')
    .replace(/[^\w.-]+/g, '_')
    .replace(/^[_.]+|_+$/g, '')
    .slice(0, 80);
  return `${plain || 'case'}.${extension}`;
}

/** Content-Disposition that has a file saved or shown under its name. */
export function disposition(how: 'attachment' | 'inline', stem: string, extension: string): string {
  return `${how}; filename="${downloadName(stem, extension)}"`;
}
