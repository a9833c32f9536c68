import { bodies, routes, type StoredSeries } from '@zest/contract';
import type { Sequelize } from 'sequelize';
import { createSeries, saveSeries, seriesOf } from '../db/series.ts';
import { SeriesRow } from '../db/models.ts';
import { answer, readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';

const view = (row: SeriesRow): StoredSeries => ({
  id: row.id,
  revision: row.revision,
  series: seriesOf(row),
});

export function addSeriesRoutes(route: AddRoute, sequelize: Sequelize): void {
  route(routes.seriesList, async (_req, res, { teamId }) => {
    answer(
      res,
      'seriesList',
      (await SeriesRow.findAll({ where: { teamId }, order: [['name', 'ASC']] })).map(view),
    );
  });
  route(routes.makeSeries, async (req, res, { teamId }) => {
    res
      .status(201)
      .json(view(await createSeries(teamId, readBody(bodies.makeSeries, req.body).series)));
  });
  route(routes.saveSeries, async (req, res, owned) => {
    const { baseRevision, series } = readBody(bodies.saveSeries, req.body);
    answer(
      res,
      'saveSeries',
      view(await saveSeries(sequelize, owned.series.id, baseRevision, series)),
    );
  });
  // Only the plan of the weeks goes; the lessons stay.
  route(routes.deleteSeries, async (_req, res, { series }) => {
    await series.destroy();
    res.status(204).end();
  });
}
