/** Set when a call found the sign-in expired: the page stays, and asks to sign in again in place. */
export const useExpired = () => useState('sign-in-expired', () => false)
