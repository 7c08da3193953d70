const DAY = 86_400_000;

/** A clock that seeding sets back, so that the term has a past; without a date set, the true time. */
export class DemoClock {
  private at: number | undefined;
  readonly now = (): string => new Date(this.at ?? Date.now()).toISOString();
  set(daysAgo: number, hour = 12, minute = 0): void {
    const day = new Date(Date.now() - daysAgo * DAY);
    day.setHours(hour, minute, 0, 0);
    this.at = Math.min(day.getTime(), Date.now());
  }
  release(): void {
    this.at = undefined;
  }
}
