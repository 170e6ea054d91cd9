/**
 * Name of a delivered file, from project, picture and size: letters, digits and dashes only, so it is safe anywhere.
 */
export function fileName(project: string, picture: string, size: string, extension: string): string {
  const plain = (text: string) =>
    text
      .normalize('NFKD')
      .replace(/[\u0300-\u036f]/g, '')
      .replace(/[^A-Za-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .toLowerCase()
      .slice(0, 60) || 'picture';
  return `${plain(project)}_${plain(picture)}_${plain(size)}.${extension}`;
}
