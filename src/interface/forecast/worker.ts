import { changes, forecast, glances, programsOf, why, type Plan } from '@/core';
import type { FromWorker, Question, ToWorker } from './messages';

/** Forecasts off the page's thread: the same core that runs on the server and in the player. */

const plans = new Map<string, Plan>();
const KEPT = 6;

function answer(plan: Plan, question: Question): unknown {
  switch (question.kind) {
    case 'glances':
      return glances(plan, question.at);
    case 'changes':
      return changes(plan, question.from, question.to, question.screens && new Set(question.screens));
    case 'segments': {
      const program = programsOf(plan).get(question.screen);
      return program ? forecast(program, question.from, question.to).segments : [];
    }
    case 'why':
      return why(plan, question.screen, question.at);
  }
}

addEventListener('message', ({ data }: MessageEvent<ToWorker>) => {
  if ('plan' in data) {
    plans.delete(data.key);
    plans.set(data.key, data.plan);
    for (const key of plans.keys()) if (plans.size > KEPT) plans.delete(key);
    return;
  }
  const reply = (message: FromWorker) => postMessage(message);
  try {
    const plan = plans.get(data.key);
    if (!plan) throw new Error(`The plan ${data.key} was not sent.`);
    reply({ id: data.id, value: answer(plan, data.question) });
  } catch (error) {
    reply({ id: data.id, error: error instanceof Error ? error.message : String(error) });
  }
});
