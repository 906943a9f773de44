import { isTemporary, type ChangeState, type Layer } from '@zemble/contract';
import { activeSet } from '@zemble/core';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { LayerMark } from '../../ui/marks.tsx';
import { useChangeActions, useChanges, type SeenChange } from './use-changes.ts';
import styles from './changes.module.css';

const MARKS: Readonly<Record<ChangeState, Layer>> = {
  planned: 'planned',
  done: 'proven',
  undone: 'marked',
  dropped: 'marked',
};

/** The changes that count, in order; those taken back or dropped are folded away below. */
export function ChangeList() {
  const { unit } = useUnitContext();
  const changes = useChanges();
  const [showsOld, setShowsOld] = useState(false);
  const active = activeSet(unit);
  const isHere = ({ resource: { change } }: SeenChange) => change.set === undefined || change.set === active;
  const counts = ({ resource: { change } }: SeenChange) =>
    change.state === 'planned' || change.state === 'done';
  const here = changes.filter((c) => counts(c) && (isHere(c) || c.resource.change.state === 'done'));
  const old = changes.filter((c) => !counts(c));
  if (changes.length === 0)
    return (
      <p className="zb-dim">
        Nothing is planned yet. What you type above is drawn and computed on the planned layer at once.
      </p>
    );
  return (
    <>
      <ul className={styles.list}>
        {here.map((seen) => (
          <ChangeRow key={seen.resource.id} seen={seen} />
        ))}
      </ul>
      {old.length > 0 && (
        <button className="zb-link zb-dim" aria-expanded={showsOld} onClick={() => setShowsOld(!showsOld)}>
          {showsOld ? 'Hide' : 'Show'} {old.length} dropped or taken back
        </button>
      )}
      {showsOld && (
        <ul className={styles.list}>
          {old.map((seen) => (
            <ChangeRow key={seen.resource.id} seen={seen} />
          ))}
        </ul>
      )}
    </>
  );
}

function ChangeRow({ seen: { resource, report } }: { seen: SeenChange }) {
  const { change } = resource;
  const { put } = useChangeActions();
  const { selectRef } = useSelection();
  const [showsWay, setShowsWay] = useState(false);
  const does = report.does.join('; ');
  const first = change.steps.find((s) => s.do === 'fit' || s.do === 'remove');
  const act = (word: string, state: ChangeState, isMain = false) => (
    <Button
      size="small"
      type={isMain ? 'primary' : 'default'}
      onClick={() => put(resource, state)}
      aria-label={`${word}: ${change.name}`}
    >
      {word}
    </Button>
  );
  return (
    <li className={styles.row} onClick={() => first && 'ref' in first && selectRef(first.ref)}>
      <LayerMark layer={MARKS[change.state]} />
      <div className={styles.what}>
        <Name resource={resource} />
        {does !== change.name && <span className="zb-mono zb-dim">{does}</span>}
        {isTemporary(change) && <span className="zb-edge">{change.purpose}, must come back</span>}
        {change.why !== undefined && change.why !== '' && <span className="zb-dim">{change.why}</span>}
        {report.problems.map((p) => (
          <span key={p.message} className="zb-problem">
            {p.message}
          </span>
        ))}
        {report.undo.length > 0 && (
          <button className="zb-link zb-dim" aria-expanded={showsWay} onClick={() => setShowsWay(!showsWay)}>
            {showsWay ? 'Hide the way back' : 'The way back'}
          </button>
        )}
        {showsWay && (
          <ol className={styles.way}>
            {report.undo.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ol>
        )}
      </div>
      <div className={styles.acts}>
        {change.state === 'planned' && (
          <>
            {act('Done', 'done', true)}
            {act('Drop', 'dropped')}
          </>
        )}
        {change.state === 'done' && act(isTemporary(change) ? 'It is back' : 'Taken back', 'undone')}
        {(change.state === 'dropped' || change.state === 'undone') && act('Plan again', 'planned')}
      </div>
    </li>
  );
}

/** The name of a change, which can be written over. */
function Name({ resource }: { resource: SeenChange['resource'] }) {
  const { say } = useChangeActions();
  const [text, setText] = useState<string | null>(null);
  const { name } = resource.change;
  if (text === null)
    return (
      <button className={`zb-link ${styles.name}`} onClick={() => setText(name)} title="Give it another name">
        {name}
      </button>
    );
  const keep = () => {
    const wanted = text.trim();
    if (wanted !== '' && wanted !== name) say(resource, { name: wanted });
    setText(null);
  };
  return (
    <Input
      autoFocus
      size="small"
      aria-label={`Name of ${name}`}
      value={text}
      maxLength={120}
      onChange={(event) => setText(event.target.value)}
      onPressEnter={keep}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Escape' && setText(null)}
    />
  );
}
