/** The files that a picture is handed over in. */
export const FILE_KINDS = ['png', 'jpg', 'exr'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

export const FILE_KIND_NAMES: Record<FileKind, string> = { png: 'PNG', jpg: 'JPEG', exr: 'EXR' };
