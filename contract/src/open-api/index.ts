import { z } from 'zod';
import { exchangeRoutes, meterFileRoutes } from '../exchange/index.ts';
import { feedRoutes } from '../feed/index.ts';
import { fleetRoutes, meterRoutes } from '../fleet/index.ts';
import { instrumentsRoutes } from '../instruments/index.ts';
import { jobsRoutes } from '../jobs/index.ts';
import { planRoutes } from '../plan/index.ts';
import { peopleRoutes } from '../people/index.ts';
import { reckonerRoutes } from '../reckoner/index.ts';
import { shopRoutes } from '../shop/index.ts';
import { sheetsRoutes } from '../sheets/index.ts';
import { ordersRoutes, storesRoutes } from '../stores/index.ts';
import { supplierRoutes } from '../supplier/index.ts';
import { toolsRoutes } from '../tools/index.ts';
import { problemSchema, type Route } from '../route/index.ts';

const features = {
  people: peopleRoutes,
  shop: shopRoutes,
  fleet: fleetRoutes,
  meters: meterRoutes,
  plan: planRoutes,
  sheets: sheetsRoutes,
  jobs: jobsRoutes,
  feed: feedRoutes,
  exchange: exchangeRoutes,
  meterFiles: meterFileRoutes,
  reckoner: reckonerRoutes,
  stores: storesRoutes,
  orders: ordersRoutes,
  supplier: supplierRoutes,
  tools: toolsRoutes,
  instruments: instrumentsRoutes,
};

/** Every route there is, by feature and name: what OpenAPI shows and what tests of access walk over. */
export function allRoutes(): { feature: string; name: string; route: Route }[] {
  return Object.entries(features).flatMap(([feature, routes]) =>
    Object.entries(routes as unknown as Record<string, Route>).map(([name, route]) => ({
      feature,
      name,
      route,
    })),
  );
}

const schemaOf = (schema: z.ZodType, io: 'input' | 'output') =>
  z.toJSONSchema(schema, { io, unrepresentable: 'any' });

function parametersOf(schema: z.ZodObject, place: 'path' | 'query') {
  return Object.entries(schema.shape).map(([name, field]) => ({
    name,
    in: place,
    required: place === 'path' || !field.safeParse(undefined).success,
    schema: schemaOf(field, 'input'),
  }));
}

function operationOf(feature: string, route: Route) {
  const problem = { content: { 'application/problem+json': { schema: schemaOf(problemSchema, 'output') } } };
  const sent = route.method === 'post' || route.method === 'put';
  return {
    tags: [feature],
    summary: route.summary,
    parameters: [...parametersOf(route.params, 'path'), ...parametersOf(route.query, 'query')],
    ...(sent
      ? { requestBody: { content: { 'application/json': { schema: schemaOf(route.body, 'input') } } } }
      : {}),
    responses: {
      200: {
        description: 'Done',
        content: { 'application/json': { schema: schemaOf(route.answer, 'output') } },
      },
      default: { description: 'What went wrong', ...problem },
    },
  };
}

/** The OpenAPI 3.1 description of every route, generated from the same definitions that check them. */
export function openApi(version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const { feature, route } of allRoutes()) {
    const path = route.path.replace(/:(\w+)/g, '{$1}');
    paths[path] = { ...paths[path], [route.method]: operationOf(feature, route) };
  }
  return { openapi: '3.1.0', info: { title: 'Lanternwright', version }, paths };
}
