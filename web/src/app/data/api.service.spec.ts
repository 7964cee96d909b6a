import { HttpHeaders, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { ApiService, type ApiProblem } from './api.service';

describe('ApiService', () => {
  let api: ApiService;
  let server: HttpTestingController;

  beforeEach(() => {
    vi.useFakeTimers();
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting()],
    });
    api = TestBed.inject(ApiService);
    server = TestBed.inject(HttpTestingController);
  });
  afterEach(() => vi.useRealTimers());

  /** Sends an entry; gives what went wrong, once something has. */
  function sending(body: unknown = {}): { problem?: ApiProblem } {
    const seen: { problem?: ApiProblem } = {};
    api.send('POST', 'entries', body).subscribe({
      error: (problem: ApiProblem) => (seen.problem = problem),
    });
    return seen;
  }
  const asked = () => server.expectOne('/api/v1/entries');
  const problemJson = new HttpHeaders({ 'Content-Type': 'application/problem+json' });
  const html = new HttpHeaders({ 'Content-Type': 'text/html' });

  it('passes on what the server refuses, with its fields', () => {
    const seen = sending();
    const errors = [{ field: 'at', message: 'In the future.' }];
    asked().flush(
      { title: 'Look again.', errors },
      { status: 422, statusText: 'no', headers: problemJson },
    );
    expect(seen.problem).toMatchObject({ status: 422, title: 'Look again.', errors });
    expect(seen.problem!.unreachable).toBe(false);
  });

  it.each([401, 403, 404, 408, 429, 502])('takes a %i from a proxy for no answer', (status) => {
    const seen = sending();
    asked().flush('<html>Sign in</html>', { status, statusText: 'no', headers: html });
    expect(seen.problem!.unreachable).toBe(true);
    expect(seen.problem!.title).toContain('Something else answered');
  });

  it('does not wait for ever: not for a read, not for a change, longer for a picture', () => {
    const seen = sending();
    const picture = sending(new Blob(['x']));
    let read: ApiProblem | undefined;
    api.get('log').subscribe({ error: (problem: ApiProblem) => (read = problem) });
    vi.advanceTimersByTime(12_001);
    expect(seen.problem).toMatchObject({ status: 0, title: 'The server does not answer.' });
    vi.advanceTimersByTime(8_000);
    expect(read!.unreachable).toBe(true);
    expect(picture.problem).toBeUndefined();
    vi.advanceTimersByTime(100_001);
    expect(picture.problem!.unreachable).toBe(true);
    for (const { cancelled } of server.match(() => true)) expect(cancelled).toBe(true);
  });
});
