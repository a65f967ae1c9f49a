-- What is over is taken out by a timer and an advisory lock now; the queue that did it is gone, with nothing of anybody in it.
DROP SCHEMA IF EXISTS "hearth_jobs" CASCADE;
