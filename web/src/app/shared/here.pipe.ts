import { Pipe, type PipeTransform } from '@angular/core';
import { told } from '@needlecase/core';

/** A text of the screens in the words of this kind of house: `{{ 'A bin bag' | here }}`. */
@Pipe({ name: 'here' })
export class HerePipe implements PipeTransform {
  transform(text: string): string {
    return told(text);
  }
}
