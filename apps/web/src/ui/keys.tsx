import styles from './keys.module.css';
/** A key as it is printed beside the action it does. */
export function Keys({ keys }: { keys: string }) {
  return (
    <span className={styles.keys}>
      {keys.split(' ').map((key) => (
        <kbd key={key}>{key}</kbd>
      ))}
    </span>
  );
}
