/**
 * The description of the API (OpenAPI 3.1): routes, paths and queries as the controllers have them; what is sent and answered from the table of
 * operations in core, which is what is checked.
 */
import type { INestApplication } from '@nestjs/common';
import { DocumentBuilder, type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import { describeSchema, isSchema, type Operation, OPERATIONS } from '@waxwing/core/api';

const JSON_TYPE = 'application/json';
const METHODS = ['get', 'post', 'patch', 'delete'] as const;

type Schema = Record<string, unknown>;
type Schemas = NonNullable<NonNullable<OpenAPIObject['components']>['schemas']>;

/** What an operation is called in the table, such as `GET /clients/{id}`. */
export const operationName = (method: string, path: string): string =>
  `${method.toUpperCase()} ${path.replace(/^\/api/, '')}`;

const content = (type: string, schema: Schema): Record<string, { schema: Schema }> => ({ [type]: { schema } });

/** What every operation answers when it does not do what it was asked for (RFC 9457). */
const PROBLEM: Schema = {
  type: 'object',
  required: ['type', 'title', 'status'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string' },
    errors: {
      type: 'array',
      description: 'The fields that are wrong',
      items: {
        type: 'object',
        required: ['path', 'message'],
        properties: { path: { type: 'string' }, message: { type: 'string' } },
      },
    },
  },
};

export function describeApi(app: INestApplication): OpenAPIObject {
  const builder = new DocumentBuilder()
    .setTitle('Waxwing')
    .setDescription('The exercise library and the floor, as an API')
    .setVersion('0.1.0')
    .setOpenAPIVersion('3.1.0');
  const document = SwaggerModule.createDocument(app, builder.build());
  const schemas: Record<string, Schema> = { Problem: PROBLEM };
  const described = (...args: Parameters<typeof describeSchema>): Schema => {
    const { schema, named } = describeSchema(...args);
    Object.assign(schemas, named);
    return schema;
  };
  const bodyOf = (body: NonNullable<Operation['body']>) => ({
    required: true,
    content:
      body === 'file'
        ? content('application/octet-stream', { type: 'string', format: 'binary' })
        : content(JSON_TYPE, described(body, 'sent')),
  });
  const answerOf = ({ answer }: Operation) =>
    answer === null
      ? { description: 'Done' }
      : {
          description: 'The answer',
          content: isSchema(answer)
            ? content(JSON_TYPE, described(answer, 'answered'))
            : content(answer.type, { type: 'string' }),
        };
  for (const [path, item] of Object.entries(document.paths))
    for (const method of METHODS) {
      const operation = item[method];
      const known = (OPERATIONS as Readonly<Record<string, Operation>>)[operationName(method, path)];
      if (!operation || !known) continue;
      const [status = '200'] = Object.keys(operation.responses).filter((code) => code.startsWith('2'));
      operation.responses = {
        [status]: answerOf(known),
        default: {
          description: 'Why it was not done',
          content: content('application/problem+json', { $ref: '#/components/schemas/Problem' }),
        },
      };
      if (known.body === undefined) delete operation.requestBody;
      else operation.requestBody = bodyOf(known.body);
    }
  document.components = { ...document.components, schemas: schemas as Schemas };
  return document;
}
