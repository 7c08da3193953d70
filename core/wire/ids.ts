import { string } from 'yup';

/** RFC 9562, version 7, lower case: made by the client, so that a repeated write changes nothing. */
export const UUID_V7 = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/;

export const idSchema = () => string().matches(UUID_V7, '${path} must be a version 7 UUID in lower case (RFC 9562)');
