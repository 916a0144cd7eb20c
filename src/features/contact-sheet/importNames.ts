/** A file as it is dropped or chosen: in a folder it tells the way to it. */
interface Dropped {
  name: string;
  path?: string;
}

/** What files are brought in as: their own names, and where several have the same, with their folder's before it. */
export function importNames(files: readonly Dropped[]): string[] {
  const key = ({ name }: Dropped) => name.toLowerCase();
  const counts = new Map<string, number>();
  for (const file of files) counts.set(key(file), (counts.get(key(file)) ?? 0) + 1);
  return files.map((file) => {
    const folder = file.path?.split(/[\\/]/).at(-2);
    return counts.get(key(file))! > 1 && folder && folder !== "." ? `${folder}, ${file.name}` : file.name;
  });
}
