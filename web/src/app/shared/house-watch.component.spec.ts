import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { NEVER } from 'rxjs';
import { ChangesService, type Stop } from '../data/changes.service';
import { HouseWatchComponent } from './house-watch.component';

const trouble = (what: string, bench: boolean) => ({
  ...{ what, bench, title: `About ${what}.`, detail: 'What to do.', leads: '/house/backup' },
  since: '2026-12-01T10:00:00.000Z',
});

describe('HouseWatchComponent', () => {
  const stopped = signal<Stop | undefined>(undefined);
  const shown = (body: unknown, onBench: boolean, except?: string): string[] => {
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        provideRouter([]),
        { provide: ChangesService, useValue: { of: () => NEVER, stopped } },
      ],
    });
    const fixture = TestBed.createComponent(HouseWatchComponent);
    fixture.componentRef.setInput('onBench', onBench);
    fixture.componentRef.setInput('except', except);
    fixture.detectChanges();
    TestBed.inject(HttpTestingController)
      .expectOne(({ url, params }) => url.endsWith('/health') && params.has('ngsw-bypass'))
      .flush(body as object);
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    return [...host.querySelectorAll('strong')].map((one) => one.textContent);
  };
  const all = { at: '', ok: false, troubles: [trouble('disk', true), trouble('broker', false)] };

  it('shows all on the pages of the house, and on the Bench what matters there', () => {
    expect(shown(all, false)).toEqual(['About disk.', 'About broker.']);
    TestBed.resetTestingModule();
    expect(shown(all, true)).toEqual(['About disk.']);
  });

  it('shows nothing to whoever is told nothing, nor where something else answers', () => {
    expect(shown({ at: '', ok: false }, false)).toEqual([]);
    TestBed.resetTestingModule();
    expect(shown('<html>Sign in</html>', false)).toEqual([]);
  });

  it('does not say again what the page itself tells of', () => {
    expect(shown(all, false, 'disk')).toEqual(['About broker.']);
  });

  it('does not say again what every screen says by itself', () => {
    stopped.set({ title: 'x', detail: 'y' });
    expect(shown({ ...all, troubles: [trouble('data-file', true)] }, false)).toEqual([]);
    stopped.set(undefined);
  });
});
