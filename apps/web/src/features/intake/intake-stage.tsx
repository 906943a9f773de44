import { Complaint } from './complaint.tsx';
import { FirstChecks } from './first-checks.tsx';
import { OthersNotes } from './others-notes.tsx';
import { Safety } from './safety.tsx';
import styles from './intake.module.css';

/** What it is, what it does wrong, and whether it can hurt: before any screw is turned. */
export function IntakeStage() {
  return (
    <div className={`hs-split ${styles.halves}`}>
      <section className="hs-panel" aria-label="Intake">
        <div className="hs-scroll" tabIndex={0} role="group" aria-label="Complaint, scrolls">
          <Complaint />
          <OthersNotes />
        </div>
      </section>
      <section className="hs-panel" aria-label="First steps">
        <div className="hs-scroll" tabIndex={0} role="group" aria-label="Cautions and first checks, scroll">
          <Safety />
          <FirstChecks />
        </div>
      </section>
    </div>
  );
}
