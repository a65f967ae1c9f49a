/** A word of the trade in plain English. Common practice, no source, where a figure stands in it. */
export interface Word {
  name: string;
  says: string;
}

export const GLOSSARY: readonly Word[] = [
  { name: "actual fragrance load", says: "The fragrance load after the amounts were rounded to what the scales read to." },
  { name: "add at", says: "The range of wax temperature in which fragrance and dye go in. Hot enough to bind, and as cool as your supplier's sheet allows." },
  { name: "batch", says: "What is made in one go from one plan: its pots, its jars, and everything that was logged on the way." },
  {
    name: "burn test",
    says: "Burning a candle in sessions to see whether its wick suits it. It holds for one jar, wax, scent and load: a change of scent, or of load by more than a point, means testing again.",
  },
  {
    name: "burn trial",
    says: "Candles that are burned to learn which wick, load or wax is right: one thing varies, the rest stays the same, and each is checked at set times.",
  },
  { name: "cold throw", says: "How strongly a candle smells while it is not lit. It grows while the candle cures." },
  { name: "cure", says: "The days after setting in which the wax hardens and the oil spreads. Burned sooner, a candle gives the wrong answer about its wick." },
  {
    name: "density",
    says: "What {a milliliter|a fluid ounce} weighs{|, against the same of water}. It turns a volume, like the water that a vessel holds, into a weight of wax or oil.",
  },
  { name: "extra", says: "Extra wax for what is left in the pitcher and on the spoon. Without it, the last jar comes up short." },
  { name: "embed", says: "What is laid into a candle to be seen in it: a shell, a stone, sand, a figure. It must not burn. Its volume comes off the fill." },
  {
    name: "fill by water",
    says: "A vessel's fill found by weighing water in it up to the fill line, times the density of the wax: wax is about a tenth lighter than water.",
  },
  { name: "fill weight", says: "The weight you pour: a little less than stated if a full vessel runs over, and the net weight if it is sold by weight." },
  {
    name: "flash point",
    says: "The temperature at which the vapor over an oil can catch fire. It is on the supplier's safety data sheet. An oil with a low flash point must not be used in gel.",
  },
  {
    name: "fragrance load",
    says: "How much fragrance there is to the wax. Most makers mean a share of the wax: 8 % is {8 g of oil to 100 g of wax|1.28 oz of oil to a pound of wax}. Some mean a share of the two together, and the same oil is then 7.4 %.",
  },
  { name: "frosting", says: "White crystals on the surface of a natural wax. They are cosmetic only." },
  {
    name: "hazard label",
    says: "The label that chemical regulations require: pictograms, a signal word and statements that follow from the ingredients. Oil blended into wax is a mixture of its own, with a label of its own.",
  },
  { name: "headspace", says: "The room left between the wax and the rim. The flame burns in it, and a lid sits over it." },
  { name: "heat to", says: "The range of wax temperature that the pot is brought to first, so that all of it is melted and ready for the oil." },
  { name: "hot throw", says: "How strongly a candle smells while it burns, in a room of a known size." },
  { name: "increment", says: "What a scale reads to, like {1 g or 0.1 g|0.1 oz or 0.05 oz}. Amounts are rounded to it." },
  { name: "lot", says: "One delivery of a material with its code, date and price. When something is wrong with an oil, its lot says which jars it went into." },
  { name: "lot of packs", says: "Packs that were made at one time. It names the batches in it, so that every pack can be found again." },
  { name: "market day", says: "A sale at a market: packs go out, are counted there, and the rest comes back to stock." },
  {
    name: "maximum temperature",
    says: "The temperature that this wax should not exceed. A short time above it does little harm; a long or repeated one discolors the wax and makes it hold oil less well.",
  },
  { name: "melt pool", says: "The liquid wax round a burning wick. It should reach the wall within two to four hours by the third burn, and not be deep." },
  { name: "mushroom", says: "A cap of carbon on the wick. Too much oil or dye, or too large a wick, makes it." },
  { name: "net weight", says: "The weight of wax and oil stated on the label. If the buyer pays by weight, never fill less." },
  { name: "pack", says: "What is sold as one: a single jar in a box, or six tealights. Packing takes jars from the rack, and boxes and labels from stock." },
  { name: "pitcher", says: "The pouring pitcher. A large batch takes several, each weighed and scented on its own." },
  { name: "pour at", says: "The range of wax temperature in which the vessels are filled. Too hot leaves pits and craters, too cool leaves a rough top." },
  { name: "process", says: "How a wax is worked: steps in order, with their temperatures and times." },
  {
    name: "protocol",
    says: "How candles are burned in a trial: the times of the checks, when each session ends, how long candles rest, and how many sessions a verdict needs.",
  },
  { name: "release", says: "Says that a batch may be sold. It needs a cure, an inspection and a burn test of the product." },
  {
    name: "relief holes",
    says: "Holes poked round the wick of a molded candle while it sets, so that the hollow that forms there can be filled by a second pour.",
  },
  { name: "safety data sheet", says: "The supplier's sheet with hazard classes, flash point and ingredients. Hazard labels are calculated from it." },
  { name: "seconds", says: "Jars with a flaw that does no harm: sold for less, or kept." },
  { name: "set", says: "The time in which the poured wax goes hard. The jars stay where they are until then." },
  { name: "sinkhole", says: "A crater or hollow by the wick, where the wax shrank while it set." },
  { name: "step", says: "One thing that is done to a batch: weigh, heat, add, stir, pour. A process is a list of steps in order." },
  { name: "tare", says: "Setting the scale to zero with the empty container on it, so that it shows only what goes in." },
  { name: "test candle", says: "A candle made for burn tests, never sold." },
  { name: "tunneling", says: "A wick too small for its jar melts a hole down the middle and leaves wax on the wall." },
  { name: "two of each", says: "Two test candles of each variant, so that chance is not taken for a difference." },
  { name: "wet spots", says: "Places where the wax has let go of the glass. They look wet and do no harm." },
  { name: "wick", says: "Its kind and size depend on the jar's inner diameter at the wax line, the wax and the load. A wide jar takes two or three." },
];
