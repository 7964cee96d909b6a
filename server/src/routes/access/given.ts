import { Link, Token, type LinkDraft, type TokenDraft } from '@needlecase/core/model/access';
import Type from 'typebox';
import { houseOrigin } from '../../access/reach.js';
import { invalid, notFound } from '../../http/problem.js';
import { longRoute, type Route } from '../../http/route.js';
import { byWhom, reads, type Ground } from '../../access/ground.js';

/** What is given to others: tokens for scripts, links that show one thing. */
export function givenRoutes(ground: Ground): Route[] {
  const { store, access, reach } = ground;
  return [
    longRoute({
      method: 'get',
      path: '/api/v1/tokens',
      summary: 'Tokens of meters and scripts',
      answers: Type.Array(Token),
      handle: () => ({ body: access.tokens.list() }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/tokens',
      summary: 'Make a token; it is told this once',
      reads: reads('TokenDraft'),
      answers: Token,
      handle: (ask) =>
        store.write(() => {
          const token = access.tokens.make(ask.body as TokenDraft);
          access.events.note('token made', { ...byWhom(ask), more: token.name });
          return { status: 201, body: token };
        }),
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/tokens/{id}',
      summary: 'Take a token back',
      answers: Type.Array(Token),
      handle: (ask) =>
        store.write(() => {
          const token = access.tokens.get(ask.params.id);
          if (!token) throw notFound('token');
          access.tokens.revoke(token.id);
          access.events.note('token taken back', { ...byWhom(ask), more: token.name });
          return { body: access.tokens.list() };
        }),
    }),
    longRoute({
      method: 'get',
      path: '/api/v1/links',
      summary: 'Links that show one machine’s record or one case',
      answers: Type.Array(Link),
      handle: () => ({ body: access.links.list() }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/links',
      summary:
        'Make a link that shows one machine’s record or one case for a fortnight; its address is told this once',
      reads: reads('LinkDraft'),
      answers: Link,
      handle: (ask) => {
        const draft = ask.body as LinkDraft;
        return store.write(() => {
          const there = draft.shows === 'machine' ? store.machines : store.cases;
          if (!there.get(draft.target)) {
            throw invalid([{ field: 'target', message: `There is no such ${draft.shows}.` }]);
          }
          const { link, secret } = access.links.make(draft);
          access.events.note('link made', { ...byWhom(ask), more: draft.forWhom });
          const address = `${houseOrigin(reach()) ?? ask.host}/shared/${secret}`;
          return { status: 201, body: { ...link, address } };
        });
      },
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/links/{id}',
      summary: 'Take a link back',
      answers: Type.Array(Link),
      handle: (ask) =>
        store.write(() => {
          const link = access.links.get(ask.params.id);
          if (!link) throw notFound('link');
          access.links.revoke(link.id);
          access.events.note('link taken back', { ...byWhom(ask), more: link.forWhom });
          return { body: access.links.list() };
        }),
    }),
  ];
}
