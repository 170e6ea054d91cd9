/** How many projects the desk shows at once. */
export const DESK_PAGE = 48;
/** How many proofs of a picture come at once. */
export const PROOFS_PAGE = 30;
