// For npm run bench: the same work in R, where it is installed with its survival package. Prints nothing where it is not.
import { spawnSync } from "node:child_process";

/** Reads the file, and gives shares with their intervals, rates, waiting by side and by outcome, sides and lags. */
const PROGRAM = `
if (!requireNamespace("survival", quietly = TRUE)) quit(status = 3)
library(survival)
t <- read.csv(commandArgs(trailingOnly = TRUE)[1])
met <- t$outcome == "met"
wilson <- function(m, n) prop.test(m, n, correct = FALSE)$conf.int
answered <- t$outcome %in% c("met", "try")
wait <- ifelse(answered, t$latency_s, t$waited_s)
fit <- survfit(Surv(wait, answered) ~ 1)
sides <- survdiff(Surv(wait, answered) ~ side, data = t)
out <- list(
  wilson(sum(met), nrow(t)),
  table(t$session, t$outcome), table(t$rung, t$outcome), table(t$side, t$outcome),
  summary(fit)$table, sides$chisq,
  quantile(t$release_lag_s, c(.5, .9), na.rm = TRUE), mean(t$release_lag_s > .5, na.rm = TRUE),
  tapply(t$phase, t$session, mean)
)
invisible(out)
`;

/** @returns seconds R takes for the work, or null where R or its survival package is not there. */
export function secondsInR(file) {
  const started = performance.now();
  const run = spawnSync("Rscript", ["-e", PROGRAM, file], { stdio: ["ignore", "ignore", "ignore"] });
  return run.status === 0 ? (performance.now() - started) / 1000 : null;
}
