import {
  api,
  mapPinSchema,
  type DrawnMap,
  type MapChange,
  type MapFormat,
  type MapPin,
} from '@yellow-thread/contract';
import { changeCodeMap } from '@yellow-thread/core/codebook';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { addressOf, call } from './client.js';
import { asChange, holdFetches } from './queryClient.js';

export const useCodeMaps = (study: number) =>
  useQuery({
    queryKey: ['code-maps', study],
    queryFn: () => call(api.listCodeMaps, { params: { study } }),
  });

const keyOf = (study: number, map: string) => ['code-map', study, map];

export const useCodeMap = (study: number, map: string) =>
  useQuery({
    queryKey: keyOf(study, map),
    queryFn: () => call(api.getCodeMap, { params: { study, map } }),
  });

export const usePutCodeMap = (study: number) =>
  useMutation({
    ...asChange('code-maps', 'code-map', 'history'),
    mutationFn: ({ id, name }: { id: string; name: string }) =>
      call(api.putCodeMap, { params: { study, map: id }, body: { name } }),
  });

export const useRemoveCodeMap = (study: number) =>
  useMutation({
    ...asChange('code-maps', 'history'),
    mutationFn: (map: string) => call(api.removeCodeMap, { params: { study, map } }),
  });

/** A pinned answer is drawn with its words before the server has it. */
export type QuotedPin = MapPin & Pick<DrawnMap['pins'][number], 'text' | 'questionId'>;
export type MapEdit = Partial<Omit<MapChange, 'pins'>> & { pins?: QuotedPin[] };

/** Changes what stands on a map; drawn at once. */
export function useChangeCodeMap(study: number, map: string) {
  const client = useQueryClient();
  return useMutation({
    ...asChange('code-maps', 'code-map', 'history'),
    mutationFn: ({ pins = [], ...edit }: MapEdit) =>
      call(api.changeCodeMap, {
        params: { study, map },
        body: {
          ...edit,
          pins: pins.map((pin) => mapPinSchema.parse(pin)),
        },
      }),
    onMutate: (edit) => {
      const key = keyOf(study, map);
      holdFetches(key);
      client.setQueryData<DrawnMap>(
        key,
        (before) =>
          before && {
            ...before,
            ...changeCodeMap(before, { nodes: [], relations: [], pins: [], removed: [], ...edit }),
          },
      );
    },
  });
}

export const mapFileAddress = (study: number, map: string, format: MapFormat) =>
  addressOf(api.downloadCodeMap, { params: { study, map, format } });
