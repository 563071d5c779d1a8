import type { ReactNode } from 'react';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly title: string;
  /** At the right of the title: what is done with the whole group. */
  readonly action?: ReactNode;
  readonly children: ReactNode;
}

// Fixed styles, so that nothing is worked out anew while a knob is turned.
const styles = {
  group: { borderTop: `1px solid ${ink.line}`, marginTop: 10, paddingTop: 8 },
  head: { display: 'flex', alignItems: 'center', justifyContent: 'space-between', gap: 8, minHeight: 28 },
  title: { fontSize: 13, fontWeight: 700, margin: 0 },
} as const;

/** A group of a panel that is always open, under its heading. */
export function Group({ title, action, children }: Props) {
  return (
    <section aria-label={title} style={styles.group}>
      <div style={styles.head}>
        <h3 style={styles.title}>{title}</h3>
        {action}
      </div>
      {children}
    </section>
  );
}
