/** What is hashed of a PIN, so that a player can check it without a network and without holding it in plain sight. */
export const pinText = (screen: string, pin: string): string => `${screen} ${pin}`;
