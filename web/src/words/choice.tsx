/** One value out of a closed list, under its name. */
export function Choice<T extends string>({
  title,
  all,
  words,
  value,
  onChange,
}: {
  title: string;
  all: readonly T[];
  words: (one: T) => string;
  value: T;
  onChange: (value: T) => void;
}) {
  return (
    <label>
      <span className="quiet block text-sm">{title}</span>
      <select className="select w-full min-w-32" value={value} onChange={(event) => onChange(event.target.value as T)}>
        {all.map((one) => (
          <option key={one} value={one}>
            {words(one)}
          </option>
        ))}
      </select>
    </label>
  );
}
