import { Body } from '@nestjs/common';
import { ApiBody, type OpenAPIObject } from '@nestjs/swagger';
import type { Schema } from 'joi';
import joiToSwagger from 'joi-to-swagger';
import { JoiPipe } from './problem.js';

type OpenApiSchema = NonNullable<NonNullable<OpenAPIObject['components']>['schemas']>[string];

/** The package is CommonJS: its function is the module itself at run time, `default` in its types. */
const describe = joiToSwagger as unknown as (typeof joiToSwagger)['default'];

/** A Joi schema as OpenAPI describes it. */
export const openApiOf = (schema: Schema): OpenApiSchema => describe(schema).swagger as OpenApiSchema;

/** The request body, checked against a Joi schema and described by the same schema at /api/docs. `more` describes parts Joi does not see, such as a file. */
export const Checked =
  (schema: Schema, more: Readonly<Record<string, OpenApiSchema>> = {}): ParameterDecorator =>
  (target, key, index) => {
    if (key === undefined) throw new TypeError('a body belongs to a method');
    Body(new JoiPipe(schema))(target, key, index);
    const described = openApiOf(schema) as { properties?: Record<string, OpenApiSchema> };
    ApiBody({ schema: { ...described, properties: { ...described.properties, ...more } } as OpenApiSchema })(
      target,
      key,
      Object.getOwnPropertyDescriptor(target, key) as PropertyDescriptor,
    );
  };

/** Every answer other than the good one has the one error shape; said once for all operations. */
export function describeProblems(document: OpenAPIObject): OpenAPIObject {
  const Problem: OpenApiSchema = {
    type: 'object',
    required: ['code', 'sentence'],
    properties: {
      code: { type: 'string' },
      sentence: { type: 'string', description: 'What happened, what is safe, what to do.' },
      field: { type: 'string' },
      conflict: { type: 'object', description: 'With code entry-conflict: what the field holds now.' },
    },
  };
  const answer = { description: 'Refused', content: { 'application/json': { schema: { $ref: '#/components/schemas/Problem' } } } };
  for (const path of Object.values(document.paths))
    for (const method of ['get', 'post', 'put', 'patch', 'delete'] as const) {
      const operation = path[method];
      if (operation) operation.responses = { ...operation.responses, default: answer };
    }
  return { ...document, components: { ...document.components, schemas: { ...document.components?.schemas, Problem } } };
}
