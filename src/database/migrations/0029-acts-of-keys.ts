/** Which changes a program made with a person's key: these are not undone by hand. */
export const up = `
ALTER TABLE changes ADD COLUMN by_key boolean NOT NULL DEFAULT false;
`;

export const down = `
ALTER TABLE changes DROP COLUMN by_key;
`;
