/** What routes and pages share. */
export { body, bytesOf } from './body';
export { sameOrigin } from './origin';
export { problemResponse } from './problem-response';
export { route } from './route';
export { serve } from './serve';
export { COOKIE, signedIn, signedInPerson } from './session';
