package api

// creation is a request that keeps a new document. A page that had no answer asks again with the same key, and gets the
// document that was kept the first time.
type creation[T any] struct {
	UID  string `header:"Idempotency-Key" pattern:"^([0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12})?$" doc:"A UUID that the client makes; asked for again with it, the document that was kept the first time is answered"`
	Body T
}
