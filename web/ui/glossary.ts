/** A word of the trade in plain English. Common practice, no source, where a figure stands in it. */
export interface Word {
  name: string;
  says: string;
}

export const GLOSSARY: readonly Word[] = [
  { name: "act", says: "One thing that is done to a batch: weigh, heat, add, stir, pour. A process is a list of acts in order." },
  {
    name: "add at",
    says: "The range of wax temperature in which fragrance and dye go in. Hot enough to bind, and as cool as your supplier's sheet allows.",
  },
  { name: "batch", says: "What is made in one go from one plan: its pots, its jars, and everything that was logged on the way." },
  {
    name: "ceiling",
    says: "The temperature that this wax should not pass. A short visit above it does little; a long or repeated one discolors the wax and spoils how it holds oil.",
  },
  { name: "cold throw", says: "How strongly a candle smells while it is not lit. It grows while the candle cures." },
  {
    name: "cure",
    says: "The rest after setting, in days, in which the wax firms up and the oil spreads. Burnt sooner, a candle tells the wrong thing about its wick.",
  },
  {
    name: "density",
    says: "What a milliliter weighs. It turns a volume, like the water that a vessel holds, into a weight of wax or oil.",
  },
  {
    name: "fill by water",
    says: "A vessel's fill found by weighing water in it up to the fill line, times the density of the wax: wax is about a tenth lighter than water.",
  },
  {
    name: "flash point",
    says: "The temperature at which the vapour over an oil can catch fire. It stands on the supplier's sheet. In gel an oil that flashes low must not be used.",
  },
  { name: "frosting", says: "White crystals on the face of a natural wax. Only its looks suffer." },
  {
    name: "headspace",
    says: "The room left between the wax and the rim. The flame burns in it, and a lid sits over it.",
  },
  {
    name: "heat to",
    says: "The range of wax temperature that the pot is brought to first, so that all of it is melted and ready for the oil.",
  },
  {
    name: "hazard label",
    says: "What the rules make a mixture bear: signs, a signal word and sentences, worked out from what is in it. A blended oil in wax is a mixture of its own, with a label of its own.",
  },
  { name: "hot throw", says: "How strongly a candle smells while it burns, in a room of a known size." },
  {
    name: "lot of packs",
    says: "Packs that were made at one time. It names the batches in it, so that every pack can be found again.",
  },
  {
    name: "load",
    says: "How much fragrance there is to the wax. Most makers mean a share of the wax: 8 % is 8 g of oil to 100 g of wax. Some mean a share of the two together, and the same oil is then 7.4 %.",
  },
  {
    name: "lot",
    says: "One delivery of a material with its code, date and price. When something is wrong with an oil, its lot says which jars it went into.",
  },
  { name: "melt pool", says: "The liquid wax round a burning wick. It should reach the wall within two to four hours by the third burn, and not be deep." },
  {
    name: "burn trial",
    says: "Candles that are burned to learn which wick, load or wax is right: one thing varied, the rest held, each looked at by the clock.",
  },
  { name: "doubles", says: "Two test candles of each option, so that a difference is not taken for chance." },
  { name: "mushroom", says: "A cap of carbon on the wick. Too much oil or dye, or too large a wick, makes it." },
  { name: "pitcher", says: "What a part of a batch is mixed and poured from. A large batch takes several, each weighed and scented on its own." },
  {
    name: "pour at",
    says: "The range of wax temperature in which the vessels are filled. Too hot leaves pits and craters, too cool leaves a rough top.",
  },
  { name: "process", says: "How a wax is worked: acts in order, with their temperatures and times." },
  {
    name: "relief holes",
    says: "Holes poked round the wick of a molded candle while it sets, so that the hollow that forms there can be filled by a second pour.",
  },
  { name: "seconds", says: "Jars with a flaw that does no harm: sold for less, or kept." },
  { name: "set", says: "The time in which the poured wax goes hard. The jars stay where they are until then." },
  { name: "sinkhole", says: "A crater or hollow by the wick, where the wax shrank while it set." },
  {
    name: "spare",
    says: "Wax mixed beyond the fills, since some stays in the pitcher and on the spoon. Without it the last jar comes up short.",
  },
  {
    name: "stated fill",
    says: "The weight of wax and oil that the vessel is sold by. Where a buyer pays for a weight, less must never be filled.",
  },
  {
    name: "working fill",
    says: "The weight that you really fill it with: a little less than stated where a full one runs over, and the stated one where it is sold by weight.",
  },
  { name: "tare", says: "Setting the scale to zero with the empty container on it, so that it shows only what goes in." },
  {
    name: "protocol",
    says: "How candles are burned in a trial: when each session is looked at and put out, how long it rests, and how many sessions a verdict needs.",
  },
  { name: "test candle", says: "A candle that is burnt to learn from, never sold." },
  { name: "tunnelling", says: "A wick too small for its jar melts a hole down the middle and leaves wax on the wall." },
  { name: "wet spots", says: "Places where the wax has let go of the glass. They look wet and do no harm." },
  {
    name: "wick test",
    says: "Burning a candle in sessions to see whether its wick suits it. It holds for one jar, wax, scent and load: a change of scent, or of load by more than a point, means testing again.",
  },
  {
    name: "wick",
    says: "Its kind and size are chosen by the jar's inner diameter at the wax line, by the wax and the load. A wide jar takes two or three.",
  },
];
