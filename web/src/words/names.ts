/** Names as they are called across a room. */

export const firstName = ({ name }: { name: string }): string => name.split(' ')[0] ?? name;
