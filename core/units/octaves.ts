/** Octaves count wherever a volt doubles the figure. */
export const countsOctaves = (quantity: string): boolean => ['frequency', 'time', 'rate'].includes(quantity);
