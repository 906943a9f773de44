import type { ReactNode } from 'react';
import styles from './file-button.module.css';

interface Props {
  /** Types that are offered, as an input takes them. */
  readonly accept: string;
  readonly children: ReactNode;
  readonly className?: string;
  readonly onFile: (file: File) => void;
}

/** A button that opens the picker for one file; the same file can be chosen again. */
export function FileButton({ accept, children, className, onFile }: Props) {
  return (
    <label className={className === undefined ? styles.fileButton : `${styles.fileButton} ${className}`}>
      <input
        type="file"
        accept={accept}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = '';
        }}
      />
      {children}
    </label>
  );
}
