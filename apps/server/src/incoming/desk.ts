/** The queue of the Desk, in addresses; no set-up is called so. */
export const DESK = 'desk';
