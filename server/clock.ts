/** The clock, so that tests and the demo can set it. Returns an RFC 3339 date-time in UTC. */
export type Clock = () => string;
