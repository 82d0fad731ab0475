/** A resistance as it is sent: all of its digits, never the figure that is shown. */
export const ohms = (value: number) => `${value} Ω`;
