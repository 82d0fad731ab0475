/** A figure as one text: "4.7 kΩ". */
export const say = (figure: { number: string; unit: string }) =>
  figure.unit ? `${figure.number} ${figure.unit}` : figure.number;
