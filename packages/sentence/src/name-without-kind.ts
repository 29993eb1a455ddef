/** A file's name as people say it: without the ending that tells what kind of file it is. */
export const nameWithoutKind = (name: string): string => name.replace(/\.(pdf|json|png|jpe?g|txt)$/i, '');
