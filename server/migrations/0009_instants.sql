-- What an older program took in as instants is mended in code, after this one (server/src/db/mend.ts).
SELECT 1;
