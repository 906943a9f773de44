import { Segmented } from 'antd';

interface Props<Word extends string> {
  /** What this chooses, for those who do not see it. */
  readonly label: string;
  /** Words, or words with another text. */
  readonly options: readonly (
    Word | { readonly value: Word; readonly label: string; readonly title?: string | undefined }
  )[];
  /** Null where none is chosen yet. */
  readonly value: Word | null;
  readonly onChange: (word: Word) => void;
  readonly isDisabled?: boolean;
}

/** One of a few words is chosen, all of them in sight. */
export const OneOf = <Word extends string>({
  label,
  options,
  value,
  onChange,
  isDisabled = false,
}: Props<Word>) => (
  <Segmented<Word | ''>
    size="small"
    options={[...options]}
    value={value ?? ''}
    onChange={(word) => onChange(word as Word)}
    disabled={isDisabled}
    aria-label={label}
  />
);
