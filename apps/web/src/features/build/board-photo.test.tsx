// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { PhotoResource } from '@zemble/contract';
import { fireEvent, screen } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { idOf, showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { LayPhoto, PhotoChoice } from './board-photo.tsx';

const PHOTO: PhotoResource = {
  id: idOf(900),
  version: 0,
  name: 'Board, parts side',
  width: 400,
  height: 200,
  points: [],
  overlay: {},
};
const UNIT = { ...unitOf({ lines: ['R1 1k a 0'] }), photos: [PHOTO] };

// A page without layout has no sizes: the picture is shown at half of its own.
beforeEach(() => {
  vi.spyOn(HTMLImageElement.prototype, 'getBoundingClientRect').mockReturnValue(
    new DOMRect(10, 20, 200, 100),
  );
});

describe('a photo that is laid by hand', () => {
  it('asks for two holes, one after the other, and tells where they are in fractions of the picture', () => {
    const [onLaid, onCancel] = [vi.fn(), vi.fn()];
    showInUnit(
      UNIT,
      <LayPhoto
        photo={PHOTO}
        landmarks={[{ hole: [2, 1], pin: 'R1.a' }, { hole: [8, 4] }]}
        onLaid={onLaid}
        onCancel={onCancel}
      />,
    );
    expect(screen.getByRole('status').textContent).toMatch(/first of two holes.*R1\.a, column 2, row 1/);
    const picture = screen.getByAltText(/Board, parts side/);
    fireEvent.click(picture, { clientX: 60, clientY: 70 });
    expect(screen.getByRole('status').textContent).toMatch(
      /second of two holes on the photo: column 8, row 4/,
    );
    expect(onLaid).not.toHaveBeenCalled();
    fireEvent.click(picture, { clientX: 210, clientY: 20 });
    expect(onLaid).toHaveBeenCalledWith({
      photoId: PHOTO.id,
      marks: [
        { hole: [2, 1], at: { x: 0.25, y: 0.5 } },
        { hole: [8, 4], at: { x: 1, y: 0 } },
      ],
    });
    fireEvent.click(screen.getByText('Leave it'));
    expect(onCancel).toHaveBeenCalledTimes(1);
  });

  it('is chosen where there are photos, and nothing is asked where there are none', () => {
    const { unmount } = showInUnit(UNIT, <PhotoChoice photoId={null} onChoose={vi.fn()} />);
    expect(screen.getByLabelText('Photo under the layout')).toBeTruthy();
    unmount();
    showInUnit(unitOf({ lines: ['R1 1k a 0'] }), <PhotoChoice photoId={null} onChoose={vi.fn()} />);
    expect(screen.queryByLabelText('Photo under the layout')).toBeNull();
  });
});
