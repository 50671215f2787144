export declare const Type: typeof import('@sinclair/typebox').Type;
