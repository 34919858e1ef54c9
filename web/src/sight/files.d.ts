declare module 'virtual:sight-files' {
  /** Where the files lie, by their content. */
  export const FOLDER: string;
  /** Bytes by name. */
  export const SIZES: Readonly<Record<string, number>>;
}
