import { Complaint } from './complaint.tsx';
import { FirstChecks } from './first-checks.tsx';
import { OthersNotes } from './others-notes.tsx';
import { Safety } from './safety.tsx';
import styles from './intake.module.css';

/** What it is, what it does wrong, and whether it can hurt: before any screw is turned. */
export function IntakeStage() {
  return (
    <div className={`zb-split ${styles.halves}`}>
      <section className="zb-panel" aria-label="Intake">
        <div className="zb-scroll" tabIndex={0} role="group" aria-label="Complaint, scrolls">
          <Complaint />
          <OthersNotes />
        </div>
      </section>
      <section className="zb-panel" aria-label="First steps">
        <div className="zb-scroll" tabIndex={0} role="group" aria-label="Cautions and first checks, scroll">
          <Safety />
          <FirstChecks />
        </div>
      </section>
    </div>
  );
}
