import { Input, type InputProps } from 'antd';
import { useId, type ReactNode } from 'react';

/** A field of one line with what was written before to choose from, by the browser's own list: any key works in it as in a plain field. */
export function WithSuggestions({ suggestions, ...props }: InputProps & { suggestions: readonly string[] }): ReactNode {
  const id = useId();
  return (
    <>
      <Input {...props} list={id} autoComplete="off" />
      <datalist id={id}>
        {suggestions.map((text) => (
          <option key={text} value={text} />
        ))}
      </datalist>
    </>
  );
}
