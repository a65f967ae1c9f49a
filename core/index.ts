/** What core offers to the application, by area. */

// Numbers, units and results

export * from "./process/cautions";
export { randomFrom } from "./random";
export * from "./result";
export * from "./units/calendar";
export * from "./units/day";
export * from "./units/day-text";
export * from "./units/density";
export * from "./units/duration";
export * from "./units/length";
export * from "./units/locale";
export * from "./units/mass";
export * from "./units/measured-columns";
export * from "./units/measured-text";
export * from "./units/money";
export * from "./units/number";
export * from "./units/parsed";
export * from "./units/percent";
export * from "./units/temperature";
export * from "./units/text";
export * from "./units/volume";

// The event log

export type { WrittenOf } from "./log/aggregate";
export { UNREADABLE, type Unreadable, unreadableOf } from "./log/events/unreadable";
export type { Entry as EntryOf, LogState, SentEntry, StockUse } from "./log/log";
export {
  type Aggregate,
  applyEvent,
  CLOCK_TOLERANCE_MS,
  type CorrectableField,
  compareHappened,
  type Description,
  type EntryFields,
  type EventOf,
  type Formatters,
  fold,
  type Head,
  hasCorrectionCycle,
  isAppendOnly,
  type Rejection,
  resolveCorrections,
  type StockDraw,
} from "./log/log";

// The shelf: materials, stock, people and notes

export * from "./materials/cautions";
export * from "./materials/complete";
export * from "./materials/fields";
export * from "./materials/kinds";
export * from "./materials/schema";
export * from "./materials/sheet";
export * from "./materials/starters";
export * from "./notes/notes";
export * from "./notes/schema";
export * from "./people/roles";
export * from "./people/topics";
export * from "./stock/draw-on";
export * from "./stock/ledger";
export * from "./stock/leftovers";

// Recipes and weighing out

export * from "./recipe/by-family";
export * from "./recipe/colors";
export * from "./recipe/component";
export * from "./recipe/difference";
export * from "./recipe/disagreements";
export * from "./recipe/dose";
export * from "./recipe/faults";
export * from "./recipe/load";
export * from "./recipe/materials";
export * from "./recipe/mix";
export * from "./recipe/oil-test";
export * from "./recipe/oil-test-schema";
export * from "./recipe/safety";
export * from "./recipe/schema";
export * from "./recipe/spec";
export * from "./recipe/suggest";
export * from "./weigh-out/amounts";
export * from "./weigh-out/api";
export * from "./weigh-out/contract";
export * from "./weigh-out/increments";
export * from "./weigh-out/pitchers";
export * from "./weigh-out/portions";
export * from "./weigh-out/running-total";
export * from "./weigh-out/weigh-out";
export { type Figure, type FigureUnit, type Operation, type Step as WorkingStep, workingOf } from "./weigh-out/working";

// Processes and products

export * from "./process/container-kind";
export * from "./process/faults";
export * from "./process/ladder";
export * from "./process/presets/ready";
export * from "./process/process";
export * from "./process/prompts";
export type { Process } from "./process/schema";
export * from "./process/schema";
export type { Prompt, PromptEntry as StepEntry, StepField, StepRecord, StepType } from "./process/step-type";
export * from "./process/steps";
export * from "./process/upcast";
export * from "./product/bill";
export * from "./product/cost";
export * from "./product/embeds";
export * from "./product/fill";
export * from "./product/fill-api";
export * from "./product/four-ways";
export * from "./product/mold-height";
export * from "./product/named-lines";
export * from "./product/parts";
export * from "./product/product";
export * from "./product/quick-vessel";
export * from "./product/schema";
export * from "./product/section";
export * from "./product/tested";
export * from "./product/wicks";

// Batches, temperatures and instruments

export * from "./batch/batch";
export * from "./batch/checked";
export * from "./batch/contents";
export * from "./batch/cues";
export { CHECK_NAMES, CHECKS, type Check, checksFor } from "./batch/events/prepared";
export { REPAIRS, type Repair } from "./batch/events/repaired";
export { SWAP_REASON_NAMES, SWAP_REASONS, type SwapReason } from "./batch/events/swapped";
export { AGAIN, type Again, isLoss, WAY_NAMES, WAYS, type Way } from "./batch/events/transferred";
export * from "./batch/fills";
export * from "./batch/from-weight";
export * from "./batch/jar-status";
export * from "./batch/jars";
export * from "./batch/loss";
export * from "./batch/melt-method";
export * from "./batch/mold-clock";
export * from "./batch/over";
export * from "./batch/past-batch";
export * from "./batch/past-batch-schema";
export * from "./batch/phase";
export * from "./batch/plan";
export * from "./batch/planning";
export * from "./batch/record";
export * from "./batch/schema";
export * from "./batch/state";
export { typicalFrom } from "./forecast/cooling";
export { answerForecast, type ForecastAnswer, type ForecastRequest } from "./forecast/forecast";
export { forecastView, forecastViews, learnedFrom } from "./forecast/forecast-view";
export type { TypicalCooling } from "./forecast/law";
export { POT_MODELS, type PotModel } from "./forecast/pot-models";
export { forecastQuality } from "./forecast/quality";
export * from "./forecast/schema";
export {
  dropOnAdding,
  type ForecastTarget,
  type ForecastView,
  type Foreseen,
  forecastTarget,
  momentOf,
  type NextCall,
  nextCall,
  stirringOf,
} from "./forecast/watch";
export * from "./heat/range";
export { LineReader, type Message, writeLine } from "./instrument/line";
export { type LoggedReading, type LoggerFile, readLogger, thinned } from "./instrument/logger-file";
export { SimulatedPot, SimulatedProbe, SimulatedScale } from "./instrument/simulated";

// Flaws, likely causes and findings

export * from "./defects/defects";
export * from "./defects/grade";
export * from "./defects/places";
export * from "./defects/remedies";
export * from "./defects/schema";
export * from "./diagnosis/change";
export * from "./diagnosis/diagnosis";
export * from "./diagnosis/of-batch";
export * from "./diagnosis/of-burn";
export * from "./diagnosis/record";
export * from "./diagnosis/schema";
export * from "./findings/batch-sums";
export * from "./findings/chart";
export * from "./findings/compare";
export * from "./findings/factors";
export * from "./findings/logistic";
export * from "./findings/proportion";
export * from "./findings/scoreboard";
export * from "./findings/threshold";
export * from "./findings/throw-levels";

// Burn trials

export { answerBurn, type BurnAnswer, type BurnRequest, burnAnswer, burnRequest } from "./burn/burn";
export * from "./burn/checked";
export * from "./burn/checks";
export { lookWords } from "./burn/events/checked";
export { STOPPED_WHY } from "./burn/events/stopped";
export * from "./burn/judge";
export * from "./burn/ladder";
export { ladderAnswer } from "./burn/ladder-answer";
export * from "./burn/limits";
export * from "./burn/plan";
export * from "./burn/propose";
export * from "./burn/protocol";
export * from "./burn/proven";
export * from "./burn/read-sessions";
export * from "./burn/record";
export * from "./burn/rooms";
export * from "./burn/rungs";
export * from "./burn/scent-throw";
export * from "./burn/schema";
export { BURN_COLUMNS, burnRows as burnSheet, readBurnRows } from "./burn/sheet";
export * from "./burn/state";
export * from "./burn/trial";
export * from "./burn/verdict";

// Days, schedules and demand

export * from "./day/cooling";
export * from "./day/day";
export * from "./day/job";
export * from "./day/pots";
export * from "./day/ready";
export * from "./day/record";
export * from "./planning/planning";
export * from "./planning/schema";
export * from "./planning/settings";
export * from "./planning/shopping";
export * from "./planning/what-if";
export { answering, answerSchedule, firstTimetable } from "./schedule/answer";
export { type ScheduleAnswer, type ScheduleRequest, scheduleAnswer, scheduleRequest } from "./schedule/request";

// Orders, packs, labels and packed quantity

export { answerHazard } from "./hazard/hazard";
export * from "./hazard/mixture";
export { CLP, HAZARD_CLASSES, type HazardRules } from "./hazard/rules";
export { type HazardAnswer, type HazardRequest, hazardAnswer, hazardRequest } from "./hazard/schema";
export * from "./hazard/sentences";
export * from "./hazard/sheet";
export * from "./hazard/transport";
export * from "./label/burn-time";
export * from "./label/net";
export * from "./label/sheet";
export * from "./label/signs";
export * from "./label/words";
export { netOfBatch } from "./quantity/of-batch";
export {
  answerQuantity,
  samplePlan,
} from "./quantity/quantity";
export { MAX_STATED_G, MIN_STATED_G, QUANTITY_RULES, type QuantityRulesId, quantityRulesOf } from "./quantity/rules";
export * from "./quantity/schema";
export * from "./sales/box";
export * from "./sales/checked";
export * from "./sales/order";
export * from "./sales/pack";
export * from "./sales/pack-schema";
export * from "./sales/plan";
export * from "./sales/sales";
export * from "./sales/schema";
export * from "./sales/sheet";
export * from "./sales/state";

// Notebooks that are brought in

export * from "./notebook/batch-notes";
export * from "./notebook/burn-notes";
export * from "./notebook/cells";
export * from "./notebook/columns";
export * from "./notebook/names";
export * from "./notebook/rows";
export * from "./notebook/table";
