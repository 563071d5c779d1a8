/**
 * Says how far a job is, 0..1, past the calls that wait for their answers, so that a long job is not taken for hung;
 * at least this many milliseconds apart.
 */
export function progressTeller(apart: number): (progress: number) => void {
  let told = 0;
  return (progress) => {
    const now = performance.now();
    if (now - told < apart) return;
    told = now;
    self.postMessage({ progress });
  };
}
