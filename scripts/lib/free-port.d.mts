export declare function freePort(): Promise<number>
