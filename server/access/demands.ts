/** Whether this installation asks a second step of whoever teaches or sets seminars up. */
export const isDemandedOfStaff = (): boolean => process.env.JOVREL_STAFF_SECOND_FACTOR === 'required'
