/** The server said no, and would say so again. */
export class ServerError extends Error {}

/** The way to the server broke, or it was not well: what was under way is gone on with in a later round. */
export class BrokenOff extends Error {}

/** The time of an operation has not come: it is neither done nor failed. */
export class NotNow extends Error {}
