/**
 * One file instead of two thousand: loading them one by one would be most of the server's start.
 * What looks itself up at run time, or is loaded a second time by others, stays outside.
 */
export default {
  // The server, its threads, and the programs of backups and of codes and keys.
  input: {
    main: 'server/dist/main.js',
    preparing: 'server/dist/imports/preparing.js',
    heavy: 'server/dist/threads/heavy.js',
    copies: 'server/dist/threads/copies.js',
    checkpoints: 'server/dist/database/checkpoints.js',
    backup: 'server/dist/backup.js',
    owner: 'server/dist/owner.js',
    'new-key': 'server/dist/new-key.js',
  },
  platform: 'node',
  external: [
    '@node-rs/argon2',
    'better-sqlite3',
    'class-transformer',
    'class-validator',
    'nodemailer/lib/mail-composer/index.js',
    'pdfmake',
    'sharp',
    'typeorm',
    /^@zxcvbn-ts\//,
    /^swagger-ui-dist/,
    // Optional parts of the framework that Waxwing does not use.
    /^@nestjs\/(microservices|websockets)/,
    /^@fastify\//,
    'class-transformer/storage',
  ],
  output: { dir: 'server/bundle', format: 'esm', keepNames: true },
};
