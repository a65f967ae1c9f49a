import { z } from "zod";

/** The longest time, in minutes: about two years. */
const MAX_MINUTES = 1_000_000;
const minutes = z.number().int("Whole minutes.").min(0, "Not below 0.").max(MAX_MINUTES, `At most ${MAX_MINUTES} minutes.`);
const count = z.number().int("A whole number.").min(0, "Not below 0.").max(10_000, "At most 10000.");
const name = z.string().min(1, "Enter a name.").max(80, "At most 80 letters.");

const step = z.object({
  id: name,
  minutes: minutes.describe("how long it takes"),
  needs: z.record(name, count).default({}).describe("how many of each resource it takes"),
  wait: z
    .object({ min: minutes.default(0), max: minutes.nullish() })
    .default({ min: 0 })
    .describe("from the end of this step to the start of the next: at least and at most; without a most it is unbounded"),
  at: minutes.nullish().describe("starts exactly then"),
  keeps: z
    .array(name)
    .max(50)
    .default([])
    .describe("resources that stay taken until the next step starts: as many as this step needs, or one from its end where it needs none"),
});

/** What is to be put into a timetable: resources, and jobs whose steps run in order. Times in whole minutes. */
export const scheduleRequest = z
  .object({
    resources: z.record(name, count),
    jobs: z
      .array(
        z.object({
          id: name,
          release: minutes.default(0).describe("not begun before"),
          due: minutes.nullish().describe("late after"),
          background: z.boolean().default(false).describe("takes what it takes, and counts neither for the makespan nor as late"),
          steps: z.array(step).min(1, "A job has at least one step.").max(200, "At most 200 steps."),
        }),
      )
      .max(500, "At most 500 jobs."),
    objective: z.enum(["makespan", "lateness"]).default("makespan"),
    seconds: z.number().positive("Give it some time.").max(30, "At most 30 seconds.").default(5),
  })
  .superRefine((value, context) => {
    const say = (path: (string | number)[], message: string) => context.addIssue({ code: "custom", path, message });
    const jobs = new Set<string>();
    for (const [index, job] of value.jobs.entries()) {
      if (jobs.has(job.id)) say(["jobs", index, "id"], `Two jobs are called “${job.id}”.`);
      jobs.add(job.id);
      const steps = new Set<string>();
      for (const [n, step] of job.steps.entries()) {
        if (steps.has(step.id)) say(["jobs", index, "steps", n, "id"], `Two steps of “${job.id}” are called “${step.id}”.`);
        steps.add(step.id);
        for (const resource of [...Object.keys(step.needs), ...step.keeps])
          if (!Object.hasOwn(value.resources, resource)) say(["jobs", index, "steps", n], `“${resource}” is not among the resources.`);
      }
    }
    if (value.jobs.reduce((sum, job) => sum + job.steps.length, 0) > 1_500) say(["jobs"], "At most 1500 steps altogether.");
  });
export type ScheduleRequest = z.output<typeof scheduleRequest>;
export type Objective = ScheduleRequest["objective"];

/** The timetable that was found. `lower_bound` holds for every timetable; where it is reached, none can be better. */
export const scheduleAnswer = z.object({
  steps: z.array(z.object({ job: z.string(), step: z.string(), start: z.number().int(), end: z.number().int() })),
  makespan: z.number().int().describe("when the last step ends, in minutes"),
  total_lateness: z.number().int().describe("by how much jobs end after they are due, together, in minutes"),
  lower_bound: z.number().int().describe("what no schedule is below, of the objective that was asked for"),
  proved_optimal: z.boolean(),
  infeasible: z
    .object({
      reason: z.string(),
      job: z.string(),
      step: z.string(),
      resource: z.string().optional(),
      window: z.object({ from: z.number().int(), to: z.number().int().optional() }).optional().describe("when a step that is held to a time could start"),
    })
    .optional(),
});
export type ScheduleAnswer = z.output<typeof scheduleAnswer>;
