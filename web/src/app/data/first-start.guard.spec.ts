import { HttpHeaders, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { Injector, runInInjectionContext } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import {
  provideRouter,
  type UrlTree,
  type ActivatedRouteSnapshot,
  type RouterStateSnapshot,
} from '@angular/router';
import type { Observable } from 'rxjs';
import { beforeEach, describe, expect, it } from 'vitest';
import { hasBench } from './first-start.guard';

const NOTHING = {
  status: 404,
  statusText: 'Not Found',
  headers: new HttpHeaders({ 'Content-Type': 'application/problem+json' }),
};

describe('hasBench', () => {
  let http: HttpTestingController;
  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [provideRouter([]), provideHttpClient(), provideHttpClientTesting()],
    });
    http = TestBed.inject(HttpTestingController);
  });

  const enter = (): { says?: boolean | UrlTree } => {
    const heard: { says?: boolean | UrlTree } = {};
    runInInjectionContext(TestBed.inject(Injector), () =>
      (
        hasBench({} as ActivatedRouteSnapshot, {} as RouterStateSnapshot) as Observable<
          boolean | UrlTree
        >
      ).subscribe((says) => (heard.says = says)),
    );
    return heard;
  };
  const answer = (path: string, status?: typeof NOTHING): void => {
    const household = { id: 'house', region: 'europe', units: 'metric' };
    for (const asked of http.match((request) => request.url.endsWith(path))) {
      if (!asked.cancelled) asked.flush(path === 'household' ? household : { household }, status);
    }
  };

  it('sends a file that holds nothing to the first start', () => {
    const heard = enter();
    answer('bench', NOTHING);
    answer('household', NOTHING);
    expect(String(heard.says)).toBe('/start');
  });

  it('lets in after the household was begun, though it was missing a moment before', () => {
    enter();
    answer('bench', NOTHING);
    answer('household', NOTHING);
    const again = enter();
    expect(again.says).toBeUndefined();
    answer('household');
    expect(again.says).toBe(true);
  });

  it('asks nothing but the bench where there is one', () => {
    const heard = enter();
    answer('bench');
    expect(heard.says).toBe(true);
    http.expectNone((request) => request.url.endsWith('household'));
  });
});
