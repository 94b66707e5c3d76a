/** What routes and pages share. */
export { body, bytesOf, textOf } from './body';
export { NETWORK_HEADER } from './door';
export { sameOrigin } from './origin';
export { problemResponse } from './problem-response';
export { route } from './route';
export { attachment } from './attachment';
export { serve } from './serve';
export { COOKIE, keepSession, pageBeginning, sessionToken, signedIn, signedInPerson } from './session';
