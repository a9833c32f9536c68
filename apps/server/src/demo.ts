/** The sign-in name of the demo's account; its password is random and known to nobody. */
export const DEMO_LOGIN = 'juniper-quay';
