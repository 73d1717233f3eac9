import type { Finding } from '@/core/preflight';

/** A finding as the worker sends it: its screens as one text, since lists of thousands of ids take the page long to read. */
export interface PackedFinding extends Omit<Finding, 'screens'> {
  readonly screens: string;
}

export const pack = (finding: Finding): PackedFinding => ({ ...finding, screens: finding.screens.join(' ') });

/** The finding again. Its list of screens is made when it is asked for: few are. */
export const unpack = ({ screens, ...rest }: PackedFinding): Finding => ({
  ...rest,
  get screens() {
    return screens === '' ? [] : screens.split(' ');
  },
});
