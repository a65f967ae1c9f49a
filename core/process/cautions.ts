/** What holds wherever wax is melted or poured. Common practice, no source; the supplier's safety data sheet and local rules come before it. */
export const HOT_WAX =
  "Never leave hot wax unattended. Keep water away from it. Wear gloves and eye protection, and keep the room aired. If wax burns, turn off the heat and smother it with a lid or a fire blanket: never use water. Your supplier's safety data sheet and local rules come first.";

/** What holds wherever a candle burns. Common practice, no source. */
export const BURNING_CANDLE =
  "Never leave a burning candle. Stand it where nothing can catch fire, away from drafts, curtains, children and pets, with space between candles. Smother a fire with a lid that does not burn: never use water. Keep an extinguisher for grease fires at hand.";
