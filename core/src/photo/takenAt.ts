/** Doubt about the clock of a camera: set before digital pictures, or ahead of the server that received them. Null when it may be right. */
export function clockDoubt(takenAt: string | null, receivedAt: string): string | null {
  if (!takenAt) return null;
  const taken = Date.parse(takenAt);
  const received = Date.parse(receivedAt);
  if (Number.isNaN(taken) || Number.isNaN(received)) return null;
  const day = 86_400_000;
  if (taken > received + day) return `the camera’s clock says ${takenAt.slice(0, 10)}, later than it arrived (${receivedAt.slice(0, 10)})`;
  if (taken < Date.UTC(2000, 0, 2)) return `the camera’s clock says ${takenAt.slice(0, 10)}: it was never set`;
  return null;
}
