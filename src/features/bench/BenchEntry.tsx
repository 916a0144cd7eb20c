"use client";
import { useEffect, useMemo, useState } from "react";
import { Revision, type PrintSummary } from "@/contracts/api";
import type { Plan } from "@/core/plan/plan";
import { askServer } from "../shared/askServer";
import { BenchPage } from "./BenchPage";
import type { BenchStart } from "./state/benchStore";
import styles from "./BenchPage.module.css";

interface Props {
  /** The plan is absent where it is so large that it would hold up the server's page: it is fetched then. */
  start: Omit<BenchStart, "plan"> & { plan: Plan | undefined };
}

/** The bench, once there is a plan. */
export function BenchEntry({ start }: Props) {
  const [plan, setPlan] = useState(start.plan);
  const [hasFailed, setFailed] = useState(false);
  useEffect(() => {
    if (plan) return;
    let isOver = false;
    void fetchPlan(start.print).then((found) => {
      if (isOver) return;
      setPlan(found);
      setFailed(!found);
    });
    return () => {
      isOver = true;
    };
  }, [plan, start]);
  const whole = useMemo(() => plan && { ...start, plan }, [start, plan]);
  if (whole) return <BenchPage start={whole} />;
  return (
    <p className={styles.coming} role="status">
      {hasFailed
        ? "The plan of this print could not be fetched. It is safe; load this page again in a moment."
        : "Fetching the plan of this print…"}
    </p>
  );
}

async function fetchPlan({ id, head }: PrintSummary): Promise<Plan | undefined> {
  const answer = await askServer("GET", `/api/prints/${id}/revisions/${head}`);
  return answer && Revision.parse(await answer.json()).plan;
}
