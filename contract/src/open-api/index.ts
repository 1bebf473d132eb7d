import { z } from 'zod';
import { programCapabilities } from '@lanternwright/core/access';
import { estimatesRoutes } from '../estimates/index.ts';
import { exchangeRoutes, meterFileRoutes } from '../exchange/index.ts';
import { feedRoutes } from '../feed/index.ts';
import { fleetRoutes, meterRoutes } from '../fleet/index.ts';
import { instrumentsRoutes } from '../instruments/index.ts';
import { jobsRoutes } from '../jobs/index.ts';
import { planRoutes } from '../plan/index.ts';
import { programsRoutes } from '../programs/index.ts';
import { peopleRoutes } from '../people/index.ts';
import { reckonerRoutes } from '../reckoner/index.ts';
import { shopRoutes } from '../shop/index.ts';
import { sheetsRoutes } from '../sheets/index.ts';
import { ordersRoutes, storesRoutes } from '../stores/index.ts';
import { supplierRoutes } from '../supplier/index.ts';
import { toolsRoutes } from '../tools/index.ts';
import { problemCodes } from '../problem/index.ts';
import { problemSchema, type Route } from '../route/index.ts';

const features = {
  people: peopleRoutes,
  programs: programsRoutes,
  shop: shopRoutes,
  fleet: fleetRoutes,
  meters: meterRoutes,
  plan: planRoutes,
  sheets: sheetsRoutes,
  jobs: jobsRoutes,
  estimates: estimatesRoutes,
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

/** Who may call: a person who is signed in, and a program whose key was given what it takes. */
function securityOf({ access }: Route): object[] {
  if (access === 'anyone') return [];
  return access in programCapabilities ? [{ session: [] }, { key: [access] }] : [{ session: [] }];
}

const problem = {
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};

function operationOf(feature: string, route: Route) {
  const sent = route.method === 'post' || route.method === 'put';
  return {
    tags: [feature],
    summary: route.summary,
    security: securityOf(route),
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
  const components = {
    securitySchemes: {
      session: {
        type: 'apiKey',
        in: 'cookie',
        name: 'lanternwright',
        description: 'A person who is signed in.',
      },
      key: {
        type: 'http',
        scheme: 'bearer',
        description: 'A key that a supervisor made for a program, with what it was given.',
      },
    },
    schemas: {
      Problem: {
        ...schemaOf(problemSchema, 'output'),
        description: `RFC 9457 problem details. A code stays what it is from version to version. Where nothing narrower is said it goes by the status: ${Object.entries(
          problemCodes,
        )
          .map(([status, code]) => `${status} ${code}`)
          .join(', ')}.`,
      },
    },
  };
  return { openapi: '3.1.0', info: { title: 'Lanternwright', version }, paths, components };
}
