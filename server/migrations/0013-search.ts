import type { QueryInterface, Transaction } from 'sequelize';

/** What a list is searched, narrowed and sorted by, kept by the database itself, whoever writes a patch. */

/** A stored text as JSON; of a damaged one, nothing. */
const json = (column: string): string => `CASE WHEN json_valid(${column}) THEN ${column} ELSE '{}' END`;
/** What all items of a list say under a name, as one text between spaces. */
const all = (list: string, value: string): string =>
  `(SELECT coalesce(' ' || group_concat(${value}, ' ') || ' ', '') FROM json_each(${list}) item)`;
const item = (name: string): string => `json_extract(item.value, '$.${name}')`;

const terms = `CREATE VIEW patch_terms AS
  WITH read AS (
    SELECT *, ${json('body')} AS document, ${json('tags')} AS labels, ${json("coalesce(summary, '{}')")} AS made FROM patches
  )
  SELECT
    id AS patchId, name, revision, updatedAt, deletedAt, labels AS tags,
    coalesce(json_extract(document, '$.notes'), '') AS notes,
    ${all("coalesce(json_extract(document, '$.modules'), '[]')", `coalesce(${item('label')}, ${item('id')}, '')`)} AS modules,
    ${all("coalesce(json_extract(document, '$.modules'), '[]')", `coalesce(${item('kind')}, '')`)} AS kinds,
    ${all("coalesce(json_extract(made, '$.summary.ends'), '[]')", item('label'))} AS ends,
    ${all("coalesce(json_extract(made, '$.summary.ends'), '[]')", item('at'))} AS reached,
    coalesce(
      (SELECT ${item('label')} FROM json_each(made, '$.summary.ends') item
        WHERE ${item('at')} = json_extract(made, '$.summary.shown') LIMIT 1),
      json_extract(made, '$.summary.ends[0].label'),
      ''
    ) AS destination,
    CASE WHEN json_extract(made, '$.fault') IS NOT NULL THEN 1e12 ELSE
      coalesce(json_extract(made, '$.summary.findings.error'), 0) * 1e6 +
      coalesce(json_extract(made, '$.summary.findings.warning'), 0) * 1e3 +
      coalesce(json_extract(made, '$.summary.findings.note'), 0)
    END AS weight,
    summaryRevision IS revision AS summarised
  FROM read`;

const COLUMNS = [
  'patchId',
  'name',
  'revision',
  'updatedAt',
  'deletedAt',
  'tags',
  'kinds',
  'reached',
  'destination',
  'weight',
  'summarised',
];
const WORDS = ['name', 'tags', 'notes', 'modules', 'kinds', 'ends'];

const index = `CREATE TABLE patch_index (
  n INTEGER PRIMARY KEY,
  patchId TEXT NOT NULL UNIQUE,
  name TEXT NOT NULL COLLATE NOCASE,
  revision INTEGER NOT NULL,
  updatedAt TEXT NOT NULL,
  deletedAt TEXT,
  tags TEXT NOT NULL,
  kinds TEXT NOT NULL,
  reached TEXT NOT NULL,
  destination TEXT NOT NULL COLLATE NOCASE,
  weight REAL NOT NULL,
  summarised INTEGER NOT NULL
)`;

const words = `CREATE VIRTUAL TABLE patch_words USING fts5(
  ${WORDS.join(', ')}, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3'
)`;

const indexed = (which: string): string =>
  `INSERT INTO patch_index (${COLUMNS.join(', ')}) SELECT ${COLUMNS.join(', ')} FROM patch_terms ${which}`;
const worded = (which: string): string =>
  `INSERT INTO patch_words (rowid, ${WORDS.join(', ')})
   SELECT i.n, ${WORDS.map((w) => `t.${w}`).join(', ')} FROM patch_terms t JOIN patch_index i USING (patchId) ${which}`;

const here = 'WHERE patchId = new.id';
const numbered = (row: 'new' | 'old'): string => `(SELECT n FROM patch_index WHERE patchId = ${row}.id)`;

const triggers = [
  `CREATE TRIGGER patch_added AFTER INSERT ON patches BEGIN
    ${indexed(here)};
    ${worded(here)};
  END`,
  `CREATE TRIGGER patch_changed AFTER UPDATE ON patches BEGIN
    UPDATE patch_index SET (${COLUMNS.join(', ')}) = (SELECT ${COLUMNS.join(', ')} FROM patch_terms ${here}) ${here};
  END`,
  `CREATE TRIGGER patch_reworded AFTER UPDATE ON patches
    WHEN new.name IS NOT old.name OR new.body IS NOT old.body OR new.tags IS NOT old.tags OR new.summary IS NOT old.summary
  BEGIN
    UPDATE patch_words SET (${WORDS.join(', ')}) = (SELECT ${WORDS.join(', ')} FROM patch_terms ${here})
      WHERE rowid = ${numbered('new')};
  END`,
  `CREATE TRIGGER patch_removed AFTER DELETE ON patches BEGIN
    DELETE FROM patch_words WHERE rowid = ${numbered('old')};
    DELETE FROM patch_index WHERE patchId = old.id;
    DELETE FROM fits WHERE patchId = old.id;
  END`,
];

/** Whether a patch can be patched with a rack, of the versions of both that were looked at. */
const fits = `CREATE TABLE fits (
  patchId TEXT NOT NULL,
  rackId TEXT NOT NULL,
  ofVersions TEXT NOT NULL,
  missing TEXT NOT NULL,
  standIns INTEGER NOT NULL,
  PRIMARY KEY (patchId, rackId)
)`;

export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  const steps = [
    terms,
    index,
    words,
    fits,
    indexed(''),
    worded(''),
    'CREATE INDEX patch_index_recent ON patch_index (deletedAt, updatedAt DESC, patchId)',
    ...triggers,
  ];
  for (const sql of steps) await query.sequelize.query(sql, { transaction });
}
