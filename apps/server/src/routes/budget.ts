import { BUDGET, type Budget } from '@brelvin/contract';
import type { FastifyInstance } from 'fastify';
import { bodyOf } from '../messages/body';
import type { SettingRepository } from '../store/setting-repository';
import { ANSWERS } from './describe';

/** What materials of the workspace may cost. */
export async function budgetRoutes(app: FastifyInstance, { settings }: { settings: SettingRepository }): Promise<void> {
  app.get('/budget', { schema: { summary: 'What materials may cost', response: ANSWERS.budget } }, () => settings.budget());

  app.put('/budget', { schema: { summary: 'Say what materials may cost', body: bodyOf(BUDGET), response: ANSWERS.budget } }, (request) =>
    settings.setBudget(request.body as Budget),
  );
}
