/** What tests read of the description of the API. */
export interface DescribedOperation {
  parameters?: { name: string; in: string; required?: boolean }[];
  requestBody?: { content: Record<string, unknown> };
  responses: Record<string, { content?: Record<string, unknown> }>;
}

export interface Described {
  paths: Record<string, Record<string, DescribedOperation>>;
}
